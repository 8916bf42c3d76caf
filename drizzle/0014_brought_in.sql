CREATE TABLE `imported_jobs` (
	`jobId` text PRIMARY KEY NOT NULL,
	`number` integer NOT NULL,
	`at` text NOT NULL,
	`personId` text NOT NULL,
	`head` text NOT NULL,
	FOREIGN KEY (`jobId`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`personId`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
