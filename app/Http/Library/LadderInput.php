<?php

declare(strict_types=1);

namespace App\Http\Library;

use Illuminate\Foundation\Http\FormRequest;

final class LadderInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['version' => 'required|integer', 'name' => 'present|nullable|string', 'rungs' => 'present|array|list'];
    }
}
