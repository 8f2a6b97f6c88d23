<?php

declare(strict_types=1);

use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Route;

// The front end asks for this once, for the cookie that guards against requests forged elsewhere.
Route::get('/session/cookie', static fn (): JsonResponse => new JsonResponse(null, 204));

// Every address of the front end is one page; the browser chooses the screen.
Route::view('/{any?}', 'app')->where('any', '^(?!api/|build/|up$).*$');
