<?php

declare(strict_types=1);

namespace App\Http;

use App\Http\People\PreferencesResource;
use App\Models\People\Person;
use Illuminate\Contracts\Foundation\Application;
use Illuminate\Contracts\View\View;
use Illuminate\Http\Request;

/** The page in which the application runs, with the names of the files that it will ask for, so that none waits for another. */
final class Page
{
    private const APPLICATION = 'resources/js/application.ts';

    public function __construct(private readonly Application $app)
    {
    }

    public function __invoke(Request $request): View
    {
        $person = $request->user();

        return view('app', [
            'ahead' => $this->ahead($this->app->getLocale(), $person !== null),
            'icon' => base64_encode((string) file_get_contents(public_path('mark.svg'))),
            'marks' => $person instanceof Person ? self::marks(PreferencesResource::of($person)) : '',
        ]);
    }

    /** By day or by night is chosen before the first line is painted. */
    private static function marks(PreferencesResource $chosen): string
    {
        return ($chosen->scheme === null ? '' : ' data-scheme="'.e($chosen->scheme).'"')
            .($chosen->contrast === null ? '' : ' data-contrast="'.e($chosen->contrast).'"');
    }

    /** @return list<string> addresses of modules: the words, the application, and, for who has come in, what all screens share */
    private function ahead(string $language, bool $isIn): array
    {
        $manifest = $this->manifest();
        $wanted = ["lang/screens/.wuchale/screens.screens.{$language}.compiled.js", self::APPLICATION];
        if ($isIn) {
            array_push($wanted, ...array_filter(array_keys($manifest), static fn (string $key): bool => str_starts_with($key, '_shared-')));
        }
        $found = [];
        while (($key = array_pop($wanted)) !== null) {
            $entry = $manifest[$key] ?? null;
            if ($entry !== null && str_ends_with($entry['file'], '.js') && ! isset($found[$key])) {
                $found[$key] = "/build/{$entry['file']}";
                array_push($wanted, ...$entry['imports'] ?? []);
            }
        }

        return array_values($found);
    }

    /** @return array<string, array{file: string, imports?: list<string>}> what the screens were built into; nothing where they are not */
    private function manifest(): array
    {
        $text = @file_get_contents(public_path('build/manifest.json'));

        return $text === false ? [] : (array) json_decode($text, true, flags: JSON_THROW_ON_ERROR);
    }
}
