"""The books: prices, what came in and went out, what is owed, earned and used; all of it worked out from what happened."""
