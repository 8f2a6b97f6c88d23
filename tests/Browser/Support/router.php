<?php

declare(strict_types=1);

/** The language's own web server in front of the application, for a company that lives as long as one test. */
$path = (string) parse_url((string) ($_SERVER['REQUEST_URI'] ?? '/'), PHP_URL_PATH);
if ($path !== '/' && is_file(dirname(__DIR__, 3).'/public'.$path)) {
    return false;
}
$_SERVER['SCRIPT_NAME'] = '/index.php';
require dirname(__DIR__, 3).'/public/index.php';

return true;
