CREATE TABLE `boards` (
	`code` text PRIMARY KEY NOT NULL,
	`doc` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `kit_checks` (
	`id` text PRIMARY KEY NOT NULL,
	`itemId` text NOT NULL,
	`at` text NOT NULL,
	`personId` text NOT NULL,
	`ok` integer NOT NULL,
	`words` text NOT NULL,
	`readings` text NOT NULL,
	FOREIGN KEY (`personId`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
