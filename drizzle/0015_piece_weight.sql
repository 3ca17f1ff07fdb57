ALTER TABLE `piece` ADD `notes` integer;--> statement-breakpoint
ALTER TABLE `piece` ADD `measures` integer;