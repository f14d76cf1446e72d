"""A clutch and its eggs judged, its forecasts told and scored, its method, card and photos."""
