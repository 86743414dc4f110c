CREATE TABLE `challenges` (
	`id` text PRIMARY KEY NOT NULL,
	`link_id` text NOT NULL,
	`address` text NOT NULL,
	`code_mac` text NOT NULL,
	`browser_hash` text NOT NULL,
	`attempts` integer DEFAULT 0 NOT NULL,
	`expires_at` integer NOT NULL,
	`used_at` integer,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`link_id`) REFERENCES `links`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `challenges_address` ON `challenges` (`address`,`created_at`);--> statement-breakpoint
CREATE TABLE `devices` (
	`id` text PRIMARY KEY NOT NULL,
	`address` text NOT NULL,
	`recipient_id` text,
	`label` text NOT NULL,
	`kept` integer NOT NULL,
	`token_hash` text NOT NULL,
	`public_key` text NOT NULL,
	`created_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	`ended_at` integer,
	FOREIGN KEY (`recipient_id`) REFERENCES `recipients`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `devices_tokenHash_unique` ON `devices` (`token_hash`);--> statement-breakpoint
CREATE TABLE `dispatches` (
	`id` text PRIMARY KEY NOT NULL,
	`reference` text NOT NULL,
	`subject` text NOT NULL,
	`note` text NOT NULL,
	`watermark` text NOT NULL,
	`sent_by` text NOT NULL,
	`sent_at` integer NOT NULL,
	FOREIGN KEY (`sent_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `dispatches_reference_unique` ON `dispatches` (`reference`);--> statement-breakpoint
CREATE TABLE `documents` (
	`id` text PRIMARY KEY NOT NULL,
	`reference` text NOT NULL,
	`title` text NOT NULL,
	`owner_id` text NOT NULL,
	`version_id` text NOT NULL,
	`revoked_at` integer,
	`revoked_by` text,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`owner_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `documents_reference_unique` ON `documents` (`reference`);--> statement-breakpoint
CREATE TABLE `grants` (
	`id` text PRIMARY KEY NOT NULL,
	`dispatch_id` text NOT NULL,
	`document_id` text NOT NULL,
	`recipient_id` text NOT NULL,
	`rights` text NOT NULL,
	`from_at` integer,
	`until_at` integer,
	`prints` integer,
	`prints_made` integer DEFAULT 0 NOT NULL,
	`revoked_at` integer,
	`revoked_by` text,
	`revision` integer DEFAULT 1 NOT NULL,
	`given_by` text NOT NULL,
	`given_at` integer NOT NULL,
	FOREIGN KEY (`dispatch_id`) REFERENCES `dispatches`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`recipient_id`) REFERENCES `recipients`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`given_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `grants_once` ON `grants` (`dispatch_id`,`document_id`,`recipient_id`);--> statement-breakpoint
CREATE INDEX `grants_document` ON `grants` (`document_id`,`recipient_id`);--> statement-breakpoint
CREATE INDEX `grants_recipient` ON `grants` (`recipient_id`);--> statement-breakpoint
CREATE TABLE `ledger_checkpoints` (
	`size` integer PRIMARY KEY NOT NULL,
	`text` text NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `ledger_end` (
	`id` integer PRIMARY KEY NOT NULL,
	`size` integer NOT NULL,
	`hash` text NOT NULL,
	`nodes` blob NOT NULL,
	`signed_size` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `ledger_entries` (
	`sequence` integer PRIMARY KEY NOT NULL,
	`body` text NOT NULL,
	`hash` text NOT NULL,
	`occurred_at` text GENERATED ALWAYS AS (json_extract(body, '$.occurredAt')) STORED,
	`action` text GENERATED ALWAYS AS (json_extract(body, '$.action')) STORED,
	`outcome` text GENERATED ALWAYS AS (json_extract(body, '$.outcome')) STORED,
	`document_id` text GENERATED ALWAYS AS (json_extract(body, '$.document')) STORED,
	`recipient_id` text GENERATED ALWAYS AS (json_extract(body, '$.recipient')) STORED,
	`dispatch_id` text GENERATED ALWAYS AS (json_extract(body, '$.dispatch')) STORED,
	`grant_id` text GENERATED ALWAYS AS (json_extract(body, '$.grant')) STORED
);
--> statement-breakpoint
CREATE INDEX `ledger_document` ON `ledger_entries` (`document_id`,`sequence`);--> statement-breakpoint
CREATE INDEX `ledger_recipient` ON `ledger_entries` (`recipient_id`,`sequence`);--> statement-breakpoint
CREATE INDEX `ledger_outcome` ON `ledger_entries` (`outcome`,`sequence`);--> statement-breakpoint
CREATE INDEX `ledger_dispatch` ON `ledger_entries` (`dispatch_id`,`sequence`);--> statement-breakpoint
CREATE TABLE `ledger_personal` (
	`sequence` integer NOT NULL,
	`field` text NOT NULL,
	`salt` blob NOT NULL,
	`value` text NOT NULL,
	PRIMARY KEY(`sequence`, `field`),
	FOREIGN KEY (`sequence`) REFERENCES `ledger_entries`(`sequence`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `licence_pages` (
	`licence_id` text NOT NULL,
	`page` integer NOT NULL,
	PRIMARY KEY(`licence_id`, `page`),
	FOREIGN KEY (`licence_id`) REFERENCES `licences`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `licences` (
	`id` text PRIMARY KEY NOT NULL,
	`grant_id` text NOT NULL,
	`document_id` text NOT NULL,
	`version_id` text NOT NULL,
	`recipient_id` text NOT NULL,
	`device_id` text NOT NULL,
	`watermark` text NOT NULL,
	`statement` text NOT NULL,
	`opened_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	FOREIGN KEY (`grant_id`) REFERENCES `grants`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`version_id`) REFERENCES `versions`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`recipient_id`) REFERENCES `recipients`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`device_id`) REFERENCES `devices`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `licences_document` ON `licences` (`document_id`);--> statement-breakpoint
CREATE INDEX `licences_grant` ON `licences` (`grant_id`);--> statement-breakpoint
CREATE TABLE `links` (
	`id` text PRIMARY KEY NOT NULL,
	`token` text NOT NULL,
	`dispatch_id` text NOT NULL,
	`recipient_id` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`dispatch_id`) REFERENCES `dispatches`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`recipient_id`) REFERENCES `recipients`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `links_token_unique` ON `links` (`token`);--> statement-breakpoint
CREATE TABLE `mailroom` (
	`id` text PRIMARY KEY NOT NULL,
	`to_address` text NOT NULL,
	`from_address` text NOT NULL,
	`subject` text NOT NULL,
	`raw` text NOT NULL,
	`received_at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `mailroom_to` ON `mailroom` (`to_address`,`received_at`);--> statement-breakpoint
CREATE TABLE `organisation` (
	`id` integer PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`zone` text NOT NULL,
	`recovery_key` text,
	`demo` integer NOT NULL,
	`clock_offset` integer DEFAULT 0 NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `outbox` (
	`id` text PRIMARY KEY NOT NULL,
	`dispatch_id` text,
	`recipient_id` text,
	`to_address` text NOT NULL,
	`subject` text NOT NULL,
	`body` text NOT NULL,
	`state` text NOT NULL,
	`attempts` integer DEFAULT 0 NOT NULL,
	`next_attempt_at` integer NOT NULL,
	`last_error` text,
	`created_at` integer NOT NULL,
	`delivered_at` integer
);
--> statement-breakpoint
CREATE INDEX `outbox_state` ON `outbox` (`state`,`next_attempt_at`);--> statement-breakpoint
CREATE TABLE `recipients` (
	`id` text PRIMARY KEY NOT NULL,
	`address` text NOT NULL,
	`name` text NOT NULL,
	`organisation` text NOT NULL,
	`blocked` integer DEFAULT false NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `recipients_address_unique` ON `recipients` (`address`);--> statement-breakpoint
CREATE TABLE `service_keys` (
	`name` text PRIMARY KEY NOT NULL,
	`generation` integer NOT NULL,
	`public_key` blob NOT NULL,
	`wrapped` blob NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `staff` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`email` text NOT NULL,
	`email_verified` integer NOT NULL,
	`image` text,
	`role` text NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `staff_email_unique` ON `staff` (`email`);--> statement-breakpoint
CREATE TABLE `staff_accounts` (
	`id` text PRIMARY KEY NOT NULL,
	`account_id` text NOT NULL,
	`provider_id` text NOT NULL,
	`user_id` text NOT NULL,
	`access_token` text,
	`refresh_token` text,
	`id_token` text,
	`access_token_expires_at` integer,
	`refresh_token_expires_at` integer,
	`scope` text,
	`password` text,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	FOREIGN KEY (`user_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `staff_sessions` (
	`id` text PRIMARY KEY NOT NULL,
	`token` text NOT NULL,
	`user_id` text NOT NULL,
	`expires_at` integer NOT NULL,
	`ip_address` text,
	`user_agent` text,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	FOREIGN KEY (`user_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `staff_sessions_token_unique` ON `staff_sessions` (`token`);--> statement-breakpoint
CREATE TABLE `staff_verifications` (
	`id` text PRIMARY KEY NOT NULL,
	`identifier` text NOT NULL,
	`value` text NOT NULL,
	`expires_at` integer NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `uploads` (
	`id` text PRIMARY KEY NOT NULL,
	`version_id` text NOT NULL,
	`staff_id` text NOT NULL,
	`file_name` text NOT NULL,
	`declared_bytes` integer NOT NULL,
	`received_bytes` integer NOT NULL,
	`blob_key` text NOT NULL,
	`header_bytes` integer NOT NULL,
	`wrapped_key` blob NOT NULL,
	`key_generation` integer NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `versions` (
	`id` text PRIMARY KEY NOT NULL,
	`document_id` text NOT NULL,
	`number` integer NOT NULL,
	`file_name` text NOT NULL,
	`pages` integer NOT NULL,
	`bytes` integer NOT NULL,
	`blob_key` text NOT NULL,
	`header_bytes` integer NOT NULL,
	`wrapped_key` blob,
	`key_generation` integer NOT NULL,
	`created_at` integer NOT NULL,
	`created_by` text NOT NULL,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`created_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
