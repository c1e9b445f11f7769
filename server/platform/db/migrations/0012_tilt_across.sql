-- How the board lay that a machine's tilt was read with, from its latest reading; running it twice changes nothing.
UPDATE `bike` AS b
JOIN `bike_reading` AS r ON r.`bike_id` = b.`id`
SET b.`machine_calibration` = JSON_SET(b.`machine_calibration`, '$.tiltAcross', JSON_VALUE(r.`row`, '$.across'))
WHERE JSON_VALUE(r.`row`, '$.kind') = 'tilt'
  AND JSON_VALUE(r.`row`, '$.across') IS NOT NULL
  AND JSON_EXISTS(b.`machine_calibration`, '$.tiltDeg')
  AND r.`withdrawn_at` IS NULL
  AND r.`position` = (
    SELECT MAX(l.`position`) FROM `bike_reading` AS l
    WHERE l.`bike_id` = b.`id` AND l.`withdrawn_at` IS NULL AND JSON_VALUE(l.`row`, '$.kind') = 'tilt'
  );
