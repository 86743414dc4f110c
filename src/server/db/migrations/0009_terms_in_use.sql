ALTER TABLE `grants` ADD `terms_id` text;--> statement-breakpoint
CREATE INDEX `grants_terms` ON `grants` (`terms_id`) WHERE terms_id IS NOT NULL;--> statement-breakpoint
ALTER TABLE `kept_terms` ADD `version` integer DEFAULT 1 NOT NULL;