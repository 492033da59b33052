"""What the studio's own work teaches: how much of the planned a hand takes, how far it scatters, how long a gram takes it."""
