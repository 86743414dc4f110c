CREATE TABLE `ceilings` (
	`level` text NOT NULL,
	`subject` text NOT NULL,
	`limits` text NOT NULL,
	`set_by` text NOT NULL,
	`set_at` integer NOT NULL,
	PRIMARY KEY(`level`, `subject`),
	FOREIGN KEY (`set_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
ALTER TABLE `grants` ADD `conditions` text;