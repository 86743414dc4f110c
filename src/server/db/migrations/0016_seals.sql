CREATE TABLE `requests_done` (
	`key` text PRIMARY KEY NOT NULL,
	`asked` text NOT NULL,
	`answer` text,
	`done_at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `requests_done_at` ON `requests_done` (`done_at`);--> statement-breakpoint
CREATE TABLE `table_sums` (
	`name` text PRIMARY KEY NOT NULL,
	`sum` blob NOT NULL,
	`rows` integer NOT NULL,
	`sequence` integer NOT NULL,
	`seal` blob NOT NULL
);
--> statement-breakpoint
DROP INDEX `outbox_state`;--> statement-breakpoint
ALTER TABLE `outbox` ADD `urgent` integer DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX `outbox_state` ON `outbox` (`state`,`urgent`,`next_attempt_at`);--> statement-breakpoint
ALTER TABLE `ceilings` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `devices` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `dispatches` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `documents` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `folders` ADD `created_by` text;--> statement-breakpoint
ALTER TABLE `folders` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `grants` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `group_members` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `level_defaults` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `licences` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `links` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `markings` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `organisation` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `recipients` ADD `added_by` text;--> statement-breakpoint
ALTER TABLE `recipients` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `rules` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `sender_limits` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `service_keys` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `staff` ADD `role_since` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `staff` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `staff_accounts` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `staff_sessions` ADD `seal` blob;--> statement-breakpoint
ALTER TABLE `uploads` ADD `sealing_from` integer;--> statement-breakpoint
ALTER TABLE `uploads` ADD `sealing_mac` text;--> statement-breakpoint
ALTER TABLE `versions` ADD `damaged_at` integer;--> statement-breakpoint
ALTER TABLE `versions` ADD `seal` blob;