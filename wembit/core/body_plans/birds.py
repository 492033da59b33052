"""What birds have alike: their colours."""

FEATHERS = {"core": "#e9e2d2", "back": "#5d7f94", "belly": "#d9a066", "wing": "#41606f", "beak": "#c9a253"}
