"""The interface over HTTP: a router for each resource."""
