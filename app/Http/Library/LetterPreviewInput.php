<?php

declare(strict_types=1);

namespace App\Http\Library;

use Illuminate\Foundation\Http\FormRequest;

final class LetterPreviewInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['on' => 'required|string', 'line' => 'required|array', 'record' => 'required|integer'];
    }
}
