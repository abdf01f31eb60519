-- Two starts in the same moment once made two runs of one build; of such a pair the newer one goes on.
UPDATE `runs` SET `ended_at` = `started_at` WHERE `ended_at` IS NULL AND EXISTS (
	SELECT 1 FROM `runs` AS `other` WHERE `other`.`build_id` = `runs`.`build_id` AND `other`.`ended_at` IS NULL
	AND (`other`.`started_at` > `runs`.`started_at` OR (`other`.`started_at` = `runs`.`started_at` AND `other`.`id` > `runs`.`id`))
);
--> statement-breakpoint
CREATE UNIQUE INDEX `runs_one_open` ON `runs` (`build_id`) WHERE ended_at is null;
