<script lang="ts">
    import { Bold, Italic, Link, List, ListOrdered } from '@lucide/svelte';
    import { Editor } from '@tiptap/core';
    import StarterKit from '@tiptap/starter-kit';
    import { Input } from 'flowbite-svelte';
    import { onMount } from 'svelte';
    import Choose from './Choose.svelte';
    import Floating from './Floating.svelte';
    import { MergeField } from './mergeField';
    import { mergeOptions } from './offers';

    /* Formatted text with merge fields as chips, edited as it reads. */
    type Props = { type: string; html: string; plain?: boolean; problem?: string };
    let { type, html = $bindable(), plain = false, problem }: Props = $props();
    let element = $state<HTMLDivElement>();
    let editor = $state.raw<Editor | null>(null);
    let shown = $state(0);
    let merging = $state<HTMLElement | null>(null);
    const options = $derived(mergeOptions(type));
    const label = (path: string) => options.find((option) => option.key === path)?.label ?? path;

    onMount(() => {
        const made = new Editor({
            element: element!,
            extensions: [
                StarterKit.configure({
                    codeBlock: false,
                    code: false,
                    strike: false,
                    horizontalRule: false,
                    heading: { levels: [2, 3] },
                    link: { openOnClick: false },
                }),
                MergeField.configure({ label }),
            ],
            content: html,
            editorProps: {
                attributes: { 'aria-label': plain ? 'Text' : 'Message', role: 'textbox', 'aria-multiline': 'true', class: 'letter' },
            },
            onUpdate: () => (html = made.isEmpty ? '' : made.getHTML()),
            onTransaction: () => shown++,
        });
        editor = made;
        return () => made.destroy();
    });

    function merge(path: string | undefined) {
        merging = null;
        if (path)
            editor
                ?.chain()
                .focus()
                .insertContent([
                    { type: 'mergeField', attrs: { path } },
                    { type: 'text', text: ' ' },
                ])
                .run();
    }

    let linking = $state<HTMLElement | null>(null);
    let href = $state('');

    function askForLink(anchor: HTMLElement) {
        href = String(editor?.getAttributes('link').href ?? '');
        linking = linking ? null : anchor;
    }

    function link(event: SubmitEvent) {
        event.preventDefault();
        linking = null;
        const address = href.trim();
        if (address === '') editor?.chain().focus().extendMarkRange('link').unsetLink().run();
        else
            editor
                ?.chain()
                .focus()
                .extendMarkRange('link')
                .setLink({ href: /^(\w+:|\{)/.test(address) ? address : `https://${address}` })
                .run();
    }

    const on = (name: string) => shown >= 0 && (editor?.isActive(name) ?? false);
</script>

<div class="mt-3 flex min-h-0 flex-1 flex-col">
    <div class="flex items-center gap-1 pb-1">
        {#if !plain}
            <button
                type="button"
                class="icon"
                title="Bold (Ctrl B)"
                aria-label="Bold"
                aria-pressed={on('bold')}
                onclick={() => editor?.chain().focus().toggleBold().run()}><Bold size={14} /></button
            >
            <button
                type="button"
                class="icon"
                title="Italic (Ctrl I)"
                aria-label="Italic"
                aria-pressed={on('italic')}
                onclick={() => editor?.chain().focus().toggleItalic().run()}><Italic size={14} /></button
            >
            <button
                type="button"
                class="icon"
                title="List"
                aria-label="List"
                aria-pressed={on('bulletList')}
                onclick={() => editor?.chain().focus().toggleBulletList().run()}><List size={14} /></button
            >
            <button
                type="button"
                class="icon"
                title="Numbered list"
                aria-label="Numbered list"
                aria-pressed={on('orderedList')}
                onclick={() => editor?.chain().focus().toggleOrderedList().run()}><ListOrdered size={14} /></button
            >
            <button
                type="button"
                class="icon"
                title="Link"
                aria-label="Link"
                aria-pressed={on('link')}
                onclick={(event) => askForLink(event.currentTarget)}><Link size={14} /></button
            >
        {/if}
        <button type="button" class="btn quiet ml-auto" onclick={(event) => (merging = merging ? null : event.currentTarget)}
            >+ field</button
        >
    </div>
    <div class="boxed scroll min-h-32 flex-1 py-2!" class:bad={problem} bind:this={element}></div>
    {#if problem}<p class="note-wrong">{problem}</p>{/if}
</div>

{#if linking}
    <Floating anchor={linking} label="Address of the link" onclose={() => (linking = null)}>
        <form class="w-[320px]" onsubmit={link}>
            <label class="block px-4 pt-3 text-[12.5px] text-ink-2" for="href">Address of the link</label>
            <div class="px-4 pt-1 pb-3">
                <Input id="href" inputmode="url" placeholder="https://…" autocomplete="off" bind:value={href} />
            </div>
            <div class="keys">
                <span><kbd>Enter</kbd>done</span><span>Left empty, there is no link.</span><button class="link ml-auto">Done</button>
            </div>
        </form>
    </Floating>
{/if}
{#if merging}
    <Floating anchor={merging} label="Merge a field" onclose={() => (merging = null)}>
        <Choose title="Merge" {options} onchoose={([path]) => merge(path)} onclose={() => (merging = null)} />
    </Floating>
{/if}
