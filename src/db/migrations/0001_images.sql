CREATE TABLE `transfers` (
	`run_id` text NOT NULL,
	`step` text NOT NULL,
	`way` text NOT NULL,
	`through` text NOT NULL,
	`bytes` real NOT NULL,
	`seconds` real NOT NULL,
	`at` text NOT NULL,
	`where_seen` text NOT NULL,
	PRIMARY KEY(`run_id`, `step`),
	FOREIGN KEY (`run_id`) REFERENCES `runs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `transfers_way` ON `transfers` (`way`,`at`);--> statement-breakpoint
PRAGMA foreign_keys=OFF;--> statement-breakpoint
CREATE TABLE `__new_profiles` (
	`key` text NOT NULL,
	`version` text NOT NULL,
	`edition` integer DEFAULT 1 NOT NULL,
	`name` text NOT NULL,
	`by` text DEFAULT '' NOT NULL,
	`updated_at` text NOT NULL,
	`yaml` text NOT NULL,
	PRIMARY KEY(`key`, `version`, `edition`)
);
--> statement-breakpoint
INSERT INTO `__new_profiles`("key", "version", "edition", "name", "by", "updated_at", "yaml") SELECT "key", "version", 1, "name", '', "updated_at", "yaml" FROM `profiles`;--> statement-breakpoint
DROP TABLE `profiles`;--> statement-breakpoint
ALTER TABLE `__new_profiles` RENAME TO `profiles`;--> statement-breakpoint
PRAGMA foreign_keys=ON;
