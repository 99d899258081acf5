"""Routes that read and store a job."""
