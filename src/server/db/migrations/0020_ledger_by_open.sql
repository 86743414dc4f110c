ALTER TABLE `ledger_entries` ADD `licence_id` text GENERATED ALWAYS AS (json_extract(body, '$.licence')) VIRTUAL;--> statement-breakpoint
CREATE INDEX `ledger_version` ON `ledger_entries` (`version_id`,`sequence`) WHERE version_id IS NOT NULL;--> statement-breakpoint
CREATE INDEX `ledger_licence` ON `ledger_entries` (`licence_id`,`action`) WHERE licence_id IS NOT NULL;