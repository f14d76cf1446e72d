"""From the pip on: what is seen and done, hatchlings, fates, and a clutch that is closed."""
