CREATE TABLE `sender_limits` (
	`staff_id` text PRIMARY KEY NOT NULL,
	`limits` text NOT NULL,
	`set_by` text NOT NULL,
	`set_at` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`set_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
