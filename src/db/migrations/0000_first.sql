CREATE TABLE `build_history` (
	`build_id` text NOT NULL,
	`version` integer NOT NULL,
	`at` text NOT NULL,
	`by` text NOT NULL,
	`letter` text,
	`edits` text NOT NULL,
	PRIMARY KEY(`build_id`, `version`),
	FOREIGN KEY (`build_id`) REFERENCES `builds`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `builds` (
	`id` text PRIMARY KEY NOT NULL,
	`number` text NOT NULL,
	`machine_id` text,
	`image_id` text,
	`subject` text NOT NULL,
	`host_name` text NOT NULL,
	`address` text NOT NULL,
	`revision` text,
	`revision_version` integer,
	`version` integer DEFAULT 1 NOT NULL,
	`updated_at` text NOT NULL,
	`sheet` text NOT NULL,
	FOREIGN KEY (`machine_id`) REFERENCES `machines`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`image_id`) REFERENCES `images`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `builds_number_unique` ON `builds` (`number`);--> statement-breakpoint
CREATE INDEX `builds_machine` ON `builds` (`machine_id`);--> statement-breakpoint
CREATE TABLE `collector_codes` (
	`hash` text PRIMARY KEY NOT NULL,
	`machine_id` text NOT NULL,
	`expires_at` text NOT NULL,
	`used_at` text,
	`bundle` text,
	`received_at` text,
	FOREIGN KEY (`machine_id`) REFERENCES `machines`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `compat_notes` (
	`id` text PRIMARY KEY NOT NULL,
	`profile` text NOT NULL,
	`document` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`updated_at` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `compat_notes_profile` ON `compat_notes` (`profile`);--> statement-breakpoint
CREATE TABLE `drives` (
	`key` text PRIMARY KEY NOT NULL,
	`machine_id` text,
	`document` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`updated_at` text NOT NULL,
	FOREIGN KEY (`machine_id`) REFERENCES `machines`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE INDEX `drives_machine` ON `drives` (`machine_id`);--> statement-breakpoint
CREATE TABLE `images` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`profile` text NOT NULL,
	`document` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`updated_at` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `machine_imports` (
	`id` text PRIMARY KEY NOT NULL,
	`machine_id` text NOT NULL,
	`at` text NOT NULL,
	`by` text NOT NULL,
	`texts` text NOT NULL,
	`changes` text NOT NULL,
	FOREIGN KEY (`machine_id`) REFERENCES `machines`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `machine_imports_machine` ON `machine_imports` (`machine_id`,`at`);--> statement-breakpoint
CREATE TABLE `machines` (
	`id` text PRIMARY KEY NOT NULL,
	`site_id` text NOT NULL,
	`name` text NOT NULL,
	`serial` text,
	`summary` text NOT NULL,
	`identity` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`updated_at` text NOT NULL,
	`document` text NOT NULL,
	FOREIGN KEY (`site_id`) REFERENCES `sites`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `machines_serial` ON `machines` (`serial`);--> statement-breakpoint
CREATE UNIQUE INDEX `machines_name` ON `machines` (`site_id`,`name`);--> statement-breakpoint
CREATE TABLE `pictures` (
	`id` text PRIMARY KEY NOT NULL,
	`machine_id` text NOT NULL,
	`at` text NOT NULL,
	`by` text NOT NULL,
	`caption` text NOT NULL,
	`type` text NOT NULL,
	`bytes` blob NOT NULL,
	FOREIGN KEY (`machine_id`) REFERENCES `machines`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `pictures_machine` ON `pictures` (`machine_id`,`at`);--> statement-breakpoint
CREATE TABLE `profiles` (
	`key` text NOT NULL,
	`version` text NOT NULL,
	`name` text NOT NULL,
	`yaml` text NOT NULL,
	`updated_at` text NOT NULL,
	PRIMARY KEY(`key`, `version`)
);
--> statement-breakpoint
CREATE TABLE `readings` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`machine_id` text NOT NULL,
	`at` text NOT NULL,
	`by` text NOT NULL,
	`kind` text NOT NULL,
	`what` text NOT NULL,
	`state` text NOT NULL,
	`value` real NOT NULL,
	`limit_value` real,
	`source` text NOT NULL,
	`how` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`machine_id`) REFERENCES `machines`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `readings_machine` ON `readings` (`machine_id`,`at`);--> statement-breakpoint
CREATE TABLE `run_events` (
	`run_id` text NOT NULL,
	`seq` integer NOT NULL,
	`at` text NOT NULL,
	`key` text NOT NULL,
	`event` text NOT NULL,
	PRIMARY KEY(`run_id`, `seq`),
	FOREIGN KEY (`run_id`) REFERENCES `runs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `run_events_key` ON `run_events` (`run_id`,`key`);--> statement-breakpoint
CREATE TABLE `runs` (
	`id` text PRIMARY KEY NOT NULL,
	`build_id` text NOT NULL,
	`started_at` text NOT NULL,
	`ended_at` text,
	`plan` text NOT NULL,
	FOREIGN KEY (`build_id`) REFERENCES `builds`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `runs_build` ON `runs` (`build_id`);--> statement-breakpoint
CREATE INDEX `runs_open` ON `runs` (`ended_at`);--> statement-breakpoint
CREATE TABLE `sites` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`document` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`updated_at` text NOT NULL
);
--> statement-breakpoint
CREATE TRIGGER `run_events_are_not_changed` BEFORE UPDATE ON `run_events` BEGIN SELECT RAISE(ABORT, 'the run log is append-only'); END;--> statement-breakpoint
CREATE TRIGGER `run_events_are_not_deleted` BEFORE DELETE ON `run_events` BEGIN SELECT RAISE(ABORT, 'the run log is append-only'); END;--> statement-breakpoint
CREATE TRIGGER `readings_are_not_changed` BEFORE UPDATE ON `readings` BEGIN SELECT RAISE(ABORT, 'readings are added, never changed'); END;
