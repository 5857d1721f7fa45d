// What the first paint needs to know, so that nothing moves when the modules run: a page loads it before its body.
document.documentElement.classList.toggle('threadless', localStorage.getItem('pyrite.thread') === 'false');
