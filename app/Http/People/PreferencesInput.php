<?php

declare(strict_types=1);

namespace App\Http\People;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** @method array{scheme?: ?string, contrast?: ?string, toured?: bool} validated($key = null, $default = null) */
final class PreferencesInput extends FormRequest
{
    public const SCHEMES = ['light', 'dark'];

    public const CONTRASTS = ['usual', 'more'];

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'scheme' => ['sometimes', 'nullable', 'string', Rule::in(self::SCHEMES)],
            'contrast' => ['sometimes', 'nullable', 'string', Rule::in(self::CONTRASTS)],
            'toured' => ['sometimes', 'boolean'],
        ];
    }
}
