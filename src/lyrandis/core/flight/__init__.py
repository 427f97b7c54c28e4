"""Flight: what is seen of arrows in the air, and what it says of spine and nock height."""
