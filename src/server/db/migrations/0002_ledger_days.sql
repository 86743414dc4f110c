CREATE TABLE `ledger_days` (
	`day` text NOT NULL,
	`kind` text NOT NULL,
	`reason` text NOT NULL,
	`document_id` text NOT NULL,
	`recipient_id` text NOT NULL,
	`dispatch_id` text NOT NULL,
	`place` text NOT NULL,
	`entries` integer NOT NULL,
	PRIMARY KEY(`day`, `kind`, `reason`, `document_id`, `recipient_id`, `dispatch_id`, `place`)
);
--> statement-breakpoint
CREATE INDEX `ledger_occurred` ON `ledger_entries` (`occurred_at`);--> statement-breakpoint
CREATE INDEX `ledger_action` ON `ledger_entries` (`action`,`sequence`);--> statement-breakpoint
CREATE INDEX `ledger_personal_value` ON `ledger_personal` (`field`,`value`,`sequence`);