CREATE TABLE `own_parts` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`part` text NOT NULL,
	`saved_at_ms` integer NOT NULL
);
