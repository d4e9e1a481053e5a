"""What watches a clip while it is decoded once: each observer sees every video frame and keeps what it is for."""
