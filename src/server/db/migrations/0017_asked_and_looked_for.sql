ALTER TABLE `ledger_entries` ADD `actor_id` text GENERATED ALWAYS AS (json_extract(body, '$.actor.id')) VIRTUAL;--> statement-breakpoint
ALTER TABLE `ledger_entries` ADD `device_id` text GENERATED ALWAYS AS (json_extract(body, '$.device')) VIRTUAL;--> statement-breakpoint
ALTER TABLE `ledger_entries` ADD `version_id` text GENERATED ALWAYS AS (json_extract(body, '$.version')) VIRTUAL;--> statement-breakpoint
ALTER TABLE `ledger_entries` ADD `link_of` text GENERATED ALWAYS AS (json_extract(body, '$.details.linkOf')) VIRTUAL;--> statement-breakpoint
CREATE INDEX `ledger_actor` ON `ledger_entries` (`actor_id`,`sequence`) WHERE actor_id IS NOT NULL;--> statement-breakpoint
CREATE INDEX `ledger_device` ON `ledger_entries` (`device_id`,`sequence`) WHERE device_id IS NOT NULL;--> statement-breakpoint
CREATE INDEX `ledger_link_of` ON `ledger_entries` (`link_of`,`sequence`) WHERE link_of IS NOT NULL;--> statement-breakpoint
ALTER TABLE `requests` ADD `met` text;