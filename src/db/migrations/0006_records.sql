CREATE TABLE `records` (
	`system_id` text NOT NULL,
	`id` text NOT NULL,
	`place` integer NOT NULL,
	`kind` text NOT NULL,
	`of` text NOT NULL,
	`corrects` text,
	`record` text NOT NULL,
	`version` integer NOT NULL,
	`kept_at_ms` integer NOT NULL,
	PRIMARY KEY(`system_id`, `id`),
	FOREIGN KEY (`system_id`) REFERENCES `systems`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `records_system_place` ON `records` (`system_id`,`place`);
--> statement-breakpoint
CREATE TRIGGER `records_stand` BEFORE UPDATE ON `records` BEGIN SELECT RAISE(ABORT, 'records are only ever added to'); END;
--> statement-breakpoint
CREATE TRIGGER `records_stay` BEFORE DELETE ON `records` WHEN EXISTS (SELECT 1 FROM `systems` WHERE `id` = OLD.`system_id`) BEGIN SELECT RAISE(ABORT, 'records go with their system alone'); END;
