"""The people of a plant: invitations, roles, who did and saw what; its data out and erased."""
