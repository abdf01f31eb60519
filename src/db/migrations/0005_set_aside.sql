CREATE TABLE `set_aside` (
	`kind` text NOT NULL,
	`id` text NOT NULL,
	`at` text NOT NULL,
	`by` text NOT NULL,
	PRIMARY KEY(`kind`, `id`)
);
