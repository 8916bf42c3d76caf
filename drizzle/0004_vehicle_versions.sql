CREATE TABLE `vehicle_versions` (
	`id` text NOT NULL,
	`version` integer NOT NULL,
	`doc` text NOT NULL,
	PRIMARY KEY(`id`, `version`)
);
--> statement-breakpoint
ALTER TABLE `sheet_drafts` ADD `kind` text DEFAULT 'sheet' NOT NULL;
--> statement-breakpoint
INSERT INTO `vehicle_versions` (`id`, `version`, `doc`) SELECT `id`, 1, `doc` FROM `vehicles`;
