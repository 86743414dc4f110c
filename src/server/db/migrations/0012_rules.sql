CREATE TABLE `rules` (
	`way` text PRIMARY KEY NOT NULL,
	`leave` text NOT NULL,
	`reason` text NOT NULL,
	`set_by` text NOT NULL,
	`set_at` integer NOT NULL,
	FOREIGN KEY (`set_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
ALTER TABLE `consents` ADD `body` text;--> statement-breakpoint
ALTER TABLE `dispatches` ADD `reason` text DEFAULT '' NOT NULL;