CREATE TABLE `jobs` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`about` text NOT NULL,
	`input` text NOT NULL,
	`state` text NOT NULL,
	`by` text NOT NULL,
	`server` text NOT NULL,
	`asked_at` text NOT NULL,
	`begun_at` text,
	`pulse_at` text NOT NULL,
	`done` real DEFAULT 0 NOT NULL,
	`size` real NOT NULL,
	`problem` text
);
--> statement-breakpoint
CREATE INDEX `jobs_state` ON `jobs` (`state`);--> statement-breakpoint
CREATE INDEX `jobs_about` ON `jobs` (`kind`,`about`,`asked_at`);