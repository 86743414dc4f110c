ALTER TABLE `recipients` ADD `left_at` integer;--> statement-breakpoint
ALTER TABLE `recipients` ADD `same_as` text;--> statement-breakpoint
CREATE INDEX `recipients_same` ON `recipients` (`same_as`) WHERE same_as IS NOT NULL;