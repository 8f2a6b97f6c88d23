<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import Choose from './Choose.svelte';
    import Floating from './Floating.svelte';
    import { mergeOptions } from './offers';

    type Props = {
        type: string;
        subject: string;
        body: string;
        wantsSubject?: boolean;
        problems?: Record<string, string | undefined>;
        /** Whether one begins to write at once. */
        focuses?: boolean;
    };
    let { type, subject = $bindable(), body = $bindable(), wantsSubject = true, problems = {}, focuses = false }: Props = $props();
    let input = $state<HTMLInputElement>();
    let merging = $state<HTMLElement | null>(null);

    $effect(() => {
        if (focuses) input?.focus();
    });

    function merge(path: string | undefined) {
        const from = input?.selectionStart ?? subject.length;
        subject = `${subject.slice(0, from)}{${path}}${subject.slice(input?.selectionEnd ?? from)}`;
        merging = null;
        input?.focus();
    }
</script>

{#if wantsSubject}
    <div class="mt-3">
        <div class="flex items-center">
            <label class="text-[12.5px] text-ink-2" for="subject">Subject</label>
            <button type="button" class="btn quiet ml-auto" onclick={(event) => (merging = merging ? null : event.currentTarget)}
                >+ field</button
            >
        </div>
        <Input
            id="subject"
            aria-invalid={problems.subject ? true : undefined}
            bind:elementRef={input}
            bind:value={subject}
            maxlength={200}
        />
        {#if problems.subject}<p class="note-wrong">{problems.subject}</p>{/if}
    </div>
{/if}
<!-- The editor is as large as all else together, so it comes when it is needed. -->
{#await import('./RichText.svelte')}
    <div class="boxed mt-3 min-h-[180px]" aria-busy="true"></div>
{:then { default: RichText }}
    <RichText {type} bind:html={body} plain={!wantsSubject} problem={problems.body} />
{/await}

{#if merging}
    <Floating anchor={merging} label="Merge a field" onclose={() => (merging = null)}>
        <Choose title="Merge" options={mergeOptions(type)} onchoose={([path]) => merge(path)} onclose={() => (merging = null)} />
    </Floating>
{/if}
