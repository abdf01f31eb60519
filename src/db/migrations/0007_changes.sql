CREATE TABLE `changes` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`at` text NOT NULL,
	`by` text NOT NULL,
	`kind` text NOT NULL,
	`id` text NOT NULL,
	`version` integer NOT NULL,
	`edits` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `changes_of` ON `changes` (`kind`,`id`,`seq`);