CREATE TABLE `folders` (
	`id` text PRIMARY KEY NOT NULL,
	`parent_id` text,
	`name` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`parent_id`) REFERENCES `folders`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `folders_parent` ON `folders` (`parent_id`);--> statement-breakpoint
CREATE TABLE `kept_terms` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`body` text NOT NULL,
	`changed_by` text NOT NULL,
	`changed_at` integer NOT NULL,
	FOREIGN KEY (`changed_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `kept_terms_name_unique` ON `kept_terms` (`name`);--> statement-breakpoint
CREATE TABLE `kept_views` (
	`id` text PRIMARY KEY NOT NULL,
	`staff_id` text NOT NULL,
	`name` text NOT NULL,
	`query` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `kept_views_name` ON `kept_views` (`staff_id`,`name`);--> statement-breakpoint
CREATE TABLE `markings` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`meaning` text NOT NULL,
	`position` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `markings_name_unique` ON `markings` (`name`);--> statement-breakpoint
CREATE TABLE `requests` (
	`id` text PRIMARY KEY NOT NULL,
	`grant_id` text NOT NULL,
	`recipient_id` text NOT NULL,
	`right` text,
	`until` integer,
	`reason` text NOT NULL,
	`state` text NOT NULL,
	`answer` text DEFAULT '' NOT NULL,
	`answered_by` text,
	`answered_at` integer,
	`asked_at` integer NOT NULL,
	FOREIGN KEY (`grant_id`) REFERENCES `grants`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`recipient_id`) REFERENCES `recipients`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`answered_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `requests_state` ON `requests` (`state`,`asked_at`);--> statement-breakpoint
CREATE INDEX `requests_grant` ON `requests` (`grant_id`);--> statement-breakpoint
ALTER TABLE `dispatches` ADD `delivery` text DEFAULT 'mail' NOT NULL;--> statement-breakpoint
ALTER TABLE `documents` ADD `deputy_id` text REFERENCES staff(id);--> statement-breakpoint
ALTER TABLE `documents` ADD `folder_id` text REFERENCES folders(id);--> statement-breakpoint
ALTER TABLE `documents` ADD `marking_id` text REFERENCES markings(id);--> statement-breakpoint
ALTER TABLE `documents` ADD `attributes` text DEFAULT '{}' NOT NULL;--> statement-breakpoint
CREATE INDEX `documents_created` ON `documents` (`created_at`,`id`);--> statement-breakpoint
CREATE INDEX `documents_folder` ON `documents` (`folder_id`);--> statement-breakpoint
-- The counts are made anew at the next start, in tables that are their own index.
DROP TABLE `ledger_days`;--> statement-breakpoint
CREATE TABLE `ledger_days` (
	`day` text NOT NULL,
	`kind` text NOT NULL,
	`outcome` text NOT NULL,
	`reason` text NOT NULL,
	`place` text NOT NULL,
	`organisation` text NOT NULL,
	`entries` integer NOT NULL,
	`last` integer DEFAULT 0 NOT NULL,
	PRIMARY KEY(`day`, `kind`, `outcome`, `reason`, `place`, `organisation`)
) WITHOUT ROWID;
--> statement-breakpoint
DROP TABLE `ledger_pairs`;--> statement-breakpoint
CREATE TABLE `ledger_pairs` (
	`day` text NOT NULL,
	`kind` text NOT NULL,
	`outcome` text NOT NULL,
	`reason` text NOT NULL,
	`place` text NOT NULL,
	`organisation` text NOT NULL,
	`entries` integer NOT NULL,
	`document_id` text NOT NULL,
	`recipient_id` text NOT NULL,
	`dispatch_id` text NOT NULL,
	PRIMARY KEY(`document_id`, `recipient_id`, `dispatch_id`, `day`, `kind`, `outcome`, `reason`, `place`, `organisation`)
) WITHOUT ROWID;
--> statement-breakpoint
CREATE INDEX `ledger_pairs_recipient` ON `ledger_pairs` (`recipient_id`);--> statement-breakpoint
CREATE INDEX `ledger_pairs_dispatch` ON `ledger_pairs` (`dispatch_id`);--> statement-breakpoint
CREATE INDEX `ledger_days_last` ON `ledger_days` (`last`);--> statement-breakpoint
ALTER TABLE `recipients` ADD `zone` text;--> statement-breakpoint
ALTER TABLE `recipients` ADD `language` text;--> statement-breakpoint
CREATE INDEX `recipients_order` ON `recipients` (`organisation`,`name`,`address`);--> statement-breakpoint
ALTER TABLE `staff` ADD `factor` blob;--> statement-breakpoint
ALTER TABLE `staff` ADD `factor_generation` integer;--> statement-breakpoint
ALTER TABLE `staff` ADD `factor_step` integer;--> statement-breakpoint
ALTER TABLE `staff_sessions` ADD `proven_at` integer;--> statement-breakpoint
ALTER TABLE `uploads` ADD `document_id` text REFERENCES documents(id);--> statement-breakpoint
CREATE INDEX `licences_recipient` ON `licences` (`recipient_id`,`opened_at`);--> statement-breakpoint
CREATE UNIQUE INDEX `versions_number` ON `versions` (`document_id`,`number`);