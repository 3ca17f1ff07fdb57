ALTER TABLE `version` ADD `name` text;--> statement-breakpoint
ALTER TABLE `version` ADD `signed_edit` integer;--> statement-breakpoint
ALTER TABLE `version` ADD `signed_at` text;