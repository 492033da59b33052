"""What will stand where nothing stands yet, in dotted outline, and the one thing to do first."""
