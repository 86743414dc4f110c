ALTER TABLE `grants` ADD `parent_id` text;--> statement-breakpoint
ALTER TABLE `grants` ADD `follows` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `grants` ADD `left_at` integer;--> statement-breakpoint
CREATE INDEX `grants_parent` ON `grants` (`parent_id`) WHERE parent_id IS NOT NULL;--> statement-breakpoint
ALTER TABLE `recipients` ADD `kind` text DEFAULT 'person' NOT NULL;