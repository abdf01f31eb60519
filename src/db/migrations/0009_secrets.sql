CREATE TABLE `secrets` (
	`build_id` text NOT NULL,
	`opens` text NOT NULL,
	`mark` text NOT NULL,
	`sealed` text,
	`at` text NOT NULL,
	`by` text NOT NULL,
	`destroyed_at` text,
	PRIMARY KEY(`build_id`, `opens`),
	FOREIGN KEY (`build_id`) REFERENCES `builds`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `secrets_mark` ON `secrets` (`mark`);