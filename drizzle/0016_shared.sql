CREATE TABLE `share_links` (
	`id` text PRIMARY KEY NOT NULL,
	`tokenHash` text NOT NULL,
	`jobId` text NOT NULL,
	`reader` text NOT NULL,
	`personId` text NOT NULL,
	`sentTo` text,
	`createdAt` text NOT NULL,
	`expiresAt` text NOT NULL,
	`revokedAt` text,
	`seenAt` text,
	FOREIGN KEY (`jobId`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`personId`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `share_links_tokenHash_unique` ON `share_links` (`tokenHash`);--> statement-breakpoint
CREATE INDEX `share_links_job` ON `share_links` (`jobId`);