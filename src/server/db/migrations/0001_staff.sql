CREATE TABLE `staff_tickets` (
	`token_mac` text PRIMARY KEY NOT NULL,
	`staff_id` text NOT NULL,
	`expires_at` integer NOT NULL,
	`used_at` integer,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `staff_tickets_staff` ON `staff_tickets` (`staff_id`);--> statement-breakpoint
ALTER TABLE `staff` ADD `disabled_at` integer;