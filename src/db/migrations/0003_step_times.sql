CREATE TABLE `step_times` (
	`run_id` text NOT NULL,
	`step` text NOT NULL,
	`screen` text NOT NULL,
	`model` text NOT NULL,
	`seconds` real NOT NULL,
	`at` text NOT NULL,
	`where_seen` text NOT NULL,
	PRIMARY KEY(`run_id`, `step`),
	FOREIGN KEY (`run_id`) REFERENCES `runs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `step_times_screen` ON `step_times` (`screen`,`at`);