"""What figures cost and what to ask for them, what the shelf is worth, and how much wool goes a month."""
