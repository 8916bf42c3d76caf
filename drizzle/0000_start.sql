CREATE TABLE `instruments` (
	`id` text PRIMARY KEY NOT NULL,
	`doc` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `job_events` (
	`id` text PRIMARY KEY NOT NULL,
	`jobId` text NOT NULL,
	`seq` integer NOT NULL,
	`at` text NOT NULL,
	`personId` text NOT NULL,
	`body` text NOT NULL,
	FOREIGN KEY (`jobId`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`personId`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `job_events_seq` ON `job_events` (`jobId`,`seq`);--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` text PRIMARY KEY NOT NULL,
	`number` integer NOT NULL,
	`createdAt` text NOT NULL,
	`createdBy` text NOT NULL,
	`ground` text NOT NULL,
	`seed` text NOT NULL,
	`head` integer NOT NULL,
	`updatedAt` text NOT NULL,
	FOREIGN KEY (`createdBy`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `jobs_number_unique` ON `jobs` (`number`);--> statement-breakpoint
CREATE TABLE `people` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`initials` text NOT NULL,
	`role` text NOT NULL,
	`pinHash` text NOT NULL,
	`failures` integer DEFAULT 0 NOT NULL,
	`lockedUntil` text
);
--> statement-breakpoint
CREATE TABLE `presence` (
	`jobId` text NOT NULL,
	`personId` text NOT NULL,
	`seenAt` text NOT NULL,
	PRIMARY KEY(`jobId`, `personId`),
	FOREIGN KEY (`jobId`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`personId`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `presence_seen` ON `presence` (`seenAt`);--> statement-breakpoint
CREATE TABLE `sessions` (
	`tokenHash` text PRIMARY KEY NOT NULL,
	`personId` text NOT NULL,
	`createdAt` text NOT NULL,
	`expiresAt` text NOT NULL,
	FOREIGN KEY (`personId`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `settings` (
	`key` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `sheets` (
	`id` text NOT NULL,
	`version` integer NOT NULL,
	`doc` text NOT NULL,
	PRIMARY KEY(`id`, `version`)
);
--> statement-breakpoint
CREATE TABLE `stands` (
	`id` text PRIMARY KEY NOT NULL,
	`doc` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `vehicles` (
	`id` text PRIMARY KEY NOT NULL,
	`doc` text NOT NULL
);
