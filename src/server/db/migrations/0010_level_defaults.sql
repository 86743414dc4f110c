CREATE TABLE `level_defaults` (
	`level` text NOT NULL,
	`subject` text NOT NULL,
	`defaults` text NOT NULL,
	`watermark` text NOT NULL,
	`set_by` text NOT NULL,
	`set_at` integer NOT NULL,
	PRIMARY KEY(`level`, `subject`),
	FOREIGN KEY (`set_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
