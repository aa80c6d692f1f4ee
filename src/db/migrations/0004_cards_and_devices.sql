CREATE TABLE `devices` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`let_in_at_ms` integer NOT NULL,
	`seen_at_ms` integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE `systems` ADD `card` text;--> statement-breakpoint
ALTER TABLE `systems` ADD `card_revision` integer;--> statement-breakpoint
ALTER TABLE `systems` ADD `card_build` text;--> statement-breakpoint
CREATE INDEX `systems_updated` ON `systems` (`updated_at_ms`);