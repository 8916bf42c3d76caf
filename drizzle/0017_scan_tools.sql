CREATE TABLE `scan_tools` (
	`id` text PRIMARY KEY NOT NULL,
	`doc` text NOT NULL
);
