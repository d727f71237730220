"""The desktop entry, icon and metadata of the program, put into a user's folders and taken out again."""

APP_ID = "org.yarrowlane.YarrowLane"
