<?php

declare(strict_types=1);

namespace App\Http\Writing;

use Illuminate\Foundation\Http\FormRequest;

final class LineTextInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['text' => 'present|nullable|string|max:5000', 'on' => 'required|string',
            'part' => 'sometimes|string|in:line,when,onlyIf,fires,until,never'];
    }
}
