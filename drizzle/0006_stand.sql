CREATE TABLE `feed_tokens` (
	`tokenHash` text PRIMARY KEY NOT NULL,
	`instrumentId` text NOT NULL,
	`personId` text NOT NULL,
	`createdAt` text NOT NULL,
	FOREIGN KEY (`personId`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `stand_codes` (
	`codeHash` text PRIMARY KEY NOT NULL,
	`jobId` text NOT NULL,
	`personId` text NOT NULL,
	`expiresAt` text NOT NULL,
	`usedAt` text,
	FOREIGN KEY (`jobId`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`personId`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
ALTER TABLE `sessions` ADD `jobId` text;