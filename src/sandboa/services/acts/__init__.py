"""Acts: one transaction each, undone by another; what every act checks first."""
