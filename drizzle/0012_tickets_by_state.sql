CREATE TABLE `job_tickets` (
	`jobId` text PRIMARY KEY NOT NULL,
	`head` integer NOT NULL,
	`state` text NOT NULL,
	`changed` integer NOT NULL,
	`ticket` text NOT NULL,
	FOREIGN KEY (`jobId`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `job_tickets_state` ON `job_tickets` (`state`);--> statement-breakpoint
CREATE INDEX `job_tickets_changed` ON `job_tickets` (`changed`);