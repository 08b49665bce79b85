// What a test gets for a style sheet.
module.exports = {};
