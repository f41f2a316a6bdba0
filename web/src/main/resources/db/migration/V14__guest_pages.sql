-- Pages of hand cues that a device was given; one with none of a show may work all of that show.
CREATE TABLE guest_pages (
  guest_id  BIGINT  NOT NULL,
  show_id   INT     NOT NULL,
  page_id   INT     NOT NULL,
  PRIMARY KEY (guest_id, show_id, page_id),
  CONSTRAINT guest_pages_of FOREIGN KEY (guest_id) REFERENCES guests (id) ON DELETE CASCADE
);
