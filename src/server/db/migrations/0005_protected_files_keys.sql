CREATE TABLE `consents` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`documents` text NOT NULL,
	`reason` text NOT NULL,
	`state` text NOT NULL,
	`asked_by` text NOT NULL,
	`asked_at` integer NOT NULL,
	`answered_by` text,
	`answered_at` integer,
	FOREIGN KEY (`asked_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`answered_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `consents_state` ON `consents` (`state`,`asked_at`);--> statement-breakpoint
ALTER TABLE `dispatches` ADD `form` text DEFAULT 'link' NOT NULL;--> statement-breakpoint
ALTER TABLE `dispatches` ADD `title_on_cover` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `documents` ADD `recoverable` integer DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE `organisation` ADD `two_people` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `outbox` ADD `attached` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `uploads` ADD `recovery_key` text;--> statement-breakpoint
ALTER TABLE `versions` ADD `recovery_key` text;--> statement-breakpoint
UPDATE `versions` SET `recovery_key` = (SELECT `recovery_key` FROM `organisation`);--> statement-breakpoint
UPDATE `uploads` SET `recovery_key` = (SELECT `recovery_key` FROM `organisation`);
