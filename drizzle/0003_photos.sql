CREATE TABLE `photos` (
	`hash` text PRIMARY KEY NOT NULL,
	`jpeg` blob NOT NULL,
	`width` integer NOT NULL,
	`height` integer NOT NULL,
	`takenAt` text,
	`keptAt` text NOT NULL,
	`personId` text NOT NULL,
	FOREIGN KEY (`personId`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
