CREATE TABLE `drafts` (
	`id` text PRIMARY KEY NOT NULL,
	`staff_id` text NOT NULL,
	`body` text NOT NULL,
	`updated_at` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `drafts_staff` ON `drafts` (`staff_id`,`updated_at`);