<?php

declare(strict_types=1);

namespace App\Http\Library;

use Illuminate\Foundation\Http\FormRequest;

final class LetterInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'version' => 'required|integer', 'name' => 'present|nullable|string', 'subject' => 'present|nullable|string',
            'body' => 'present|nullable|string',
        ];
    }
}
