document.body.append('hello');
