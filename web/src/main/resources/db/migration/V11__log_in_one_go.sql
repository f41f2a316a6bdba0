-- Orders stand in the log beside what went out and came in; what is old is found by its time.
ALTER TABLE traffic
  MODIFY COLUMN direction VARCHAR(5) NOT NULL,
  ADD KEY traffic_by_time (epoch_micros);
