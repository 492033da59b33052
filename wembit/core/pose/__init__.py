"""Where parts are: seats, meshes, what joins hide, balance."""
