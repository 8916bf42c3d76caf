CREATE TABLE `job_numbers` (
	`jobId` text NOT NULL,
	`calibrationId` text NOT NULL,
	`at` text NOT NULL,
	`sheet` text NOT NULL,
	`stand` text NOT NULL,
	`instruments` text NOT NULL,
	`boards` text NOT NULL,
	`people` text NOT NULL,
	`doc` text NOT NULL,
	PRIMARY KEY(`jobId`, `calibrationId`),
	FOREIGN KEY (`jobId`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `job_numbers_at` ON `job_numbers` (`at`);