CREATE TABLE `sheet_drafts` (
	`key` text PRIMARY KEY NOT NULL,
	`doc` text NOT NULL,
	`editedBy` text NOT NULL,
	`updatedAt` text NOT NULL,
	FOREIGN KEY (`editedBy`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
