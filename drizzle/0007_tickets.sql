CREATE TABLE `job_tickets` (
	`jobId` text PRIMARY KEY NOT NULL,
	`key` text NOT NULL,
	`ticket` text NOT NULL,
	FOREIGN KEY (`jobId`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action
);
