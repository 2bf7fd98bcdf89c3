-- What ships is read from JSON that is made when the program is built: there is nothing to keep.

DROP TABLE reading;
