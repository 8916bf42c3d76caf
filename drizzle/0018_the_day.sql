CREATE TABLE `bookings` (
	`id` text PRIMARY KEY NOT NULL,
	`day` text NOT NULL,
	`doc` text NOT NULL,
	`jobId` text,
	`personId` text NOT NULL,
	FOREIGN KEY (`jobId`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`personId`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `bookings_day` ON `bookings` (`day`);--> statement-breakpoint
CREATE TABLE `day_pins` (
	`day` text NOT NULL,
	`card` text NOT NULL,
	`pins` text NOT NULL,
	PRIMARY KEY(`day`, `card`)
);
