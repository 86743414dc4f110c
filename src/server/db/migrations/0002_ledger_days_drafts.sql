CREATE TABLE `drafts` (
	`id` text PRIMARY KEY NOT NULL,
	`staff_id` text NOT NULL,
	`body` text NOT NULL,
	`updated_at` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `drafts_staff` ON `drafts` (`staff_id`,`updated_at`);--> statement-breakpoint
CREATE TABLE `ledger_days` (
	`day` text NOT NULL,
	`kind` text NOT NULL,
	`outcome` text NOT NULL,
	`reason` text NOT NULL,
	`place` text NOT NULL,
	`organisation` text NOT NULL,
	`entries` integer NOT NULL,
	PRIMARY KEY(`day`, `kind`, `outcome`, `reason`, `place`, `organisation`)
);
--> statement-breakpoint
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
);
--> statement-breakpoint
CREATE INDEX `ledger_pairs_recipient` ON `ledger_pairs` (`recipient_id`);--> statement-breakpoint
CREATE INDEX `ledger_pairs_dispatch` ON `ledger_pairs` (`dispatch_id`);--> statement-breakpoint
CREATE INDEX `ledger_occurred` ON `ledger_entries` (`occurred_at`);--> statement-breakpoint
CREATE INDEX `ledger_action` ON `ledger_entries` (`action`,`sequence`);--> statement-breakpoint
CREATE INDEX `ledger_personal_value` ON `ledger_personal` (`field`,`value`,`sequence`);