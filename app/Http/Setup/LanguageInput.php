<?php

declare(strict_types=1);

namespace App\Http\Setup;

use App\Store\Languages;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** @method array{language?: ?string} validated($key = null, $default = null) */
final class LanguageInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['language' => ['nullable', 'string', Rule::in(Languages::CODES)]];
    }
}
