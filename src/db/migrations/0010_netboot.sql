CREATE TABLE `armings` (
	`id` text PRIMARY KEY NOT NULL,
	`machine_id` text NOT NULL,
	`build_id` text NOT NULL,
	`until` text NOT NULL,
	`token_hash` text,
	`agreed` text NOT NULL,
	FOREIGN KEY (`machine_id`) REFERENCES `machines`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`build_id`) REFERENCES `builds`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `armings_machine` ON `armings` (`machine_id`,`until`);--> statement-breakpoint
CREATE UNIQUE INDEX `armings_token` ON `armings` (`token_hash`);--> statement-breakpoint
CREATE TABLE `boot_events` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`arming_id` text,
	`at` text NOT NULL,
	`mac` text NOT NULL,
	`event` text NOT NULL,
	FOREIGN KEY (`arming_id`) REFERENCES `armings`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `boot_events_arming` ON `boot_events` (`arming_id`,`seq`);--> statement-breakpoint
CREATE INDEX `boot_events_mac` ON `boot_events` (`mac`,`seq`);